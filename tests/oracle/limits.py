#!/usr/bin/python3
"""Bands, caps and cost: butte-cli against scipy (HiGHS for linear programs, SLSQP for fits within limits) on 60 random
formulas. Usage: limits.py BUTTE_CLI. Fails on any disagreement."""
import json,subprocess,random,sys
import numpy as np
from scipy.optimize import linprog, minimize
cli = sys.argv[1]
F=["KNO3","Ca(NO3)2·4H2O","KH2PO4","MgSO4·7H2O","K2SO4","NH4NO3","NH4H2PO4","KCl","Mg(NO3)2·6H2O","(NH4)2SO4"]
keys=["N","P","K","Ca","Mg","S","Cl","N_NH4"]
comp={f:json.loads(subprocess.run([cli,'composition',f],capture_output=True,text=True).stdout)['mass_fraction'] for f in F}
random.seed(5); bad=0; feas=0
for t in range(60):
    sh=random.sample(F,random.randint(4,10)); tol=random.choice([3,8,15,30])
    tgt={k:round(random.uniform(.5,1.2)*{"N":180,"P":40,"K":220,"Ca":150,"Mg":35,"S":60,"Cl":20,"N_NH4":15}[k],1) for k in random.sample(keys,random.randint(3,6))}
    caps={"Cl":60.0,"N_NH4":20.0}
    A=np.array([[1000*comp[f][k] for f in sh] for k in tgt]); b=np.array(list(tgt.values()))
    C=np.array([[1000*comp[f][k] for f in sh] for k in caps]); cb=np.array(list(caps.values()))
    price=[round(random.uniform(.4,3),2) for _ in sh]
    G=np.vstack([A,-A,C]); h=np.concatenate([b*(1+tol/100),-b*(1-tol/100),cb])
    lp=linprog(np.array(price)/1000,A_ub=G,b_ub=h,method='highs')
    base={"products":[{"id":f,"formula":f,"price_per_kg":p} for f,p in zip(sh,price)],"target_mg_per_l":tgt,"tolerance_percent":{"default":tol},"max_mg_per_l":caps,"require":"bands"}
    for obj in ("cheapest","closest"):
        r=subprocess.run([cli,'solve'],input=json.dumps({**base,"objective":obj}),capture_output=True,text=True)
        if (r.returncode==0)!=(lp.status==0): print('feas mismatch',t,obj,r.returncode,lp.status); bad+=1; continue
        if r.returncode==0:
            feas+=1; j=json.loads(r.stdout)
            if j['status']!='met' or any(w['code']=='check_failed' for w in j['warnings']): print('status',t,j['status']); bad+=1
            x=np.array([j['weights_g'][f] for f in sh])
            if obj=='cheapest' and j['cost']>lp.fun*(1+1e-7)+1e-12: print('cost',t,j['cost'],lp.fun); bad+=1
            if obj=='closest':
                f=lambda x:(((A@x-b)/b)**2).sum()
                m=minimize(f,x,jac=lambda x:2*A.T@((A@x-b)/b**2),bounds=[(0,None)]*len(sh),constraints={'type':'ineq','fun':lambda x:h-G@x,'jac':lambda x:-G},method='SLSQP',options={'ftol':1e-15,'maxiter':500})
                if m.success and (h-G@m.x).min()>-1e-9 and m.fun<f(x)-1e-8*(1+f(x)): print('fit',t,f(x),m.fun); bad+=1
    r=subprocess.run([cli,'solve'],input=json.dumps({**base,"objective":"closest","require":"best"}),capture_output=True,text=True)
    x=np.array([json.loads(r.stdout)['weights_g'][f] for f in sh]); f=lambda x:(((A@x-b)/b)**2).sum()
    m=minimize(f,x,jac=lambda x:2*A.T@((A@x-b)/b**2),bounds=[(0,None)]*len(sh),constraints={'type':'ineq','fun':lambda x:cb-C@x,'jac':lambda x:-C},method='SLSQP',options={'ftol':1e-15,'maxiter':500})
    if m.success and (cb-C@m.x).min()>-1e-9 and m.fun<f(x)-1e-8*(1+f(x)): print('bestfit',t,f(x),m.fun); bad+=1
    r=subprocess.run([cli,'solve'],input=json.dumps({**base,"objective":"cheapest","require":"best"}),capture_output=True,text=True)
    n=len(sh); k=len(tgt)
    # violation
    G2=np.block([[A,-np.eye(k)],[-A,-np.eye(k)],[C,np.zeros((2,k))]]); 
    l2=linprog(np.concatenate([np.zeros(n),1/b]),A_ub=G2,b_ub=h,method='highs')
    xx=np.array([json.loads(r.stdout)['weights_g'][f] for f in sh]); res=A@xx
    v=(np.maximum(0,np.maximum(res-b*(1+tol/100),b*(1-tol/100)-res))/b).sum()
    if v>l2.fun+1e-7: print('viol',t,v,l2.fun); bad+=1
print('bad',bad,'feasible',feas)
sys.exit(1 if bad or feas < 20 else 0)
